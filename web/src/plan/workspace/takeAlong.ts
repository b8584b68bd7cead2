import { download } from "../../lib/download";
import type { Stance } from "../../head";

/** What can be taken along from a plan. */
export type TakeAlong = "sheet" | "view" | "file";

interface Style {
  unit: string;
  paper: string;
}

/** Saves a file of the stored plan with the browser. */
export function takeAlong(what: TakeAlong, id: string, stance: Stance, style: Style) {
  const query = (values: Record<string, string>) => new URLSearchParams(values).toString();
  const turn = ((stance.lon % 360) + 360) % 360;
  const address = {
    sheet: `sheet.pdf?${query({ unit: style.unit, paper: style.paper })}`,
    view: `view.svg?${query({ lon: turn.toFixed(1), lat: stance.lat.toFixed(1) })}`,
    file: "export",
  }[what];
  download(`/api/v1/plans/${id}/${address}`);
}
