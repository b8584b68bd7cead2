import { Segmented, Select } from "antd";
import type { Base, OwnBase } from "../../../api/types";
import { CountField, RefusedHere } from "../../../ui/fields";
import panel from "../../../ui/panel.module.css";
import styles from "./base.module.css";

/** What is said of a ground, be it the base of the head or of a part of it. */
export type Grounded = Pick<Base, "kind" | "run" | "tracks" | "tails"> & Pick<Base, "under">;

interface Props {
  /** Whose ground it is, for those who listen. */
  whose: string;
  path: string;
  ground: Grounded;
  /** True where individuals may stand there after all. */
  individuals?: boolean;
  /** False for a part whose cornrows cannot run as they like. */
  runs?: boolean;
  onChange: (part: Partial<Omit<OwnBase, "part">>) => void;
}

const kinds: readonly { value: OwnBase["kind"]; label: string }[] = [
  { value: "tracks", label: "Cornrows" },
  { value: "linked", label: "Linked plaits" },
  { value: "plaits", label: "Plaits laid back" },
  { value: "net", label: "Net" },
];

const says: Partial<Record<OwnBase["kind"], string>> = {
  linked: "Sized as the back: each plait is laid into the next one behind it.",
  plaits:
    "Sized as the back: a piece is hooked plainly on each plait, and the plait laid back. Nothing is woven.",
  net: "A weaving net, stitched on; pieces are hooked through hair and net.",
  individuals: "Individuals there too, sized as the back.",
};

/** What own hair is made into where no individuals stand. */
export function GroundFields({ whose, path, ground, individuals = false, runs = true, onChange }: Props) {
  const cornrows = ground.kind === "tracks";
  return (
    <>
      <Select<OwnBase["kind"]>
        aria-label={whose}
        value={ground.kind}
        options={[
          ...kinds,
          ...(individuals ? [{ value: "individuals" as const, label: "Individuals" }] : []),
        ]}
        onChange={(kind) => onChange({ kind })}
      />
      <RefusedHere path={`${path}.kind`} />
      {says[ground.kind] && <p className={panel.lead}>{says[ground.kind]}</p>}
      {cornrows && runs && (
        <Segmented<OwnBase["run"]>
          block
          aria-label={`How the cornrows run: ${whose.toLowerCase()}`}
          className={styles.tight ?? ""}
          value={ground.run}
          options={[
            { value: "straight-back", label: "Back" },
            { value: "horizontal", label: "Sideways" },
            { value: "diagonal", label: "Diagonal" },
            { value: "curved", label: "Curved" },
          ]}
          onChange={(run) =>
            // Diagonal ones run outward on both sides alike.
            onChange({ run, ...(run === "diagonal" && { tracks: 2 * Math.ceil(ground.tracks / 2) }) })
          }
        />
      )}
      {(cornrows || ground.kind === "net") && runs && (
        <CountField
          label={cornrows ? "Cornrows" : "Plaits under the net"}
          path={`${path}.tracks`}
          value={ground.tracks}
          max={40}
          onChange={(tracks) => onChange({ tracks })}
        />
      )}
      {(cornrows || (ground.kind === "net" && ground.under !== "plaits")) && (
        <Segmented<OwnBase["tails"]>
          block
          aria-label={`Tails: ${whose.toLowerCase()}`}
          value={ground.tails}
          options={[
            { value: "tucked", label: "Tails tucked" },
            { value: "stitched", label: "Stitched" },
            { value: "chained", label: "Chained" },
          ]}
          onChange={(tails) => onChange({ tails })}
        />
      )}
    </>
  );
}
