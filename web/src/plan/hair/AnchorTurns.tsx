import { Button } from "antd";
import { useKnownCatalogue } from "../../api/queries";
import { countOf } from "../../lib/countOf";
import { usePreferences } from "../../lib/preferences";
import { length } from "../../lib/units";
import { LengthField } from "../../ui/fields";
import panel from "../../ui/panel.module.css";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";

const lengths = [38.1, 50.8]; // mm, as people say it: an inch and a half, two inches

/** How far the few turns of a plait go, in turns or as a length; 0 is three turns. */
export function AnchorTurns({ anchorMm }: { anchorMm: number }) {
  const act = useAct();
  const unit = usePreferences((p) => p.unit);
  const { turnMm } = useKnownCatalogue();
  const go = (mm: number) => act(actions.setPreparation("plaits.anchorMm", { anchorMm: mm }));
  const quick = [
    ...[2, 3].map((n) => ({ says: countOf(n, "turn"), mm: n * turnMm })),
    ...lengths.map((mm) => ({ says: length(mm, unit), mm })),
  ];
  return (
    <>
      <LengthField
        label="The turns go over"
        path="plaits.anchorMm"
        help={`About ${countOf(Math.max(1, Math.round((anchorMm || 3 * turnMm) / turnMm)), "turn")}`}
        empty
        mm={anchorMm}
        onChange={go}
      />
      <div className={panel.quick}>
        {quick.map(({ says, mm }) => (
          <Button key={says} onClick={() => go(mm)}>
            {says}
          </Button>
        ))}
      </div>
    </>
  );
}
