import { Segmented, Select } from "antd";
import type { OwnBase, Settings, StructureRule } from "../../../api/types";
import panel from "../../../ui/panel.module.css";
import { useAct } from "../../draft/act";
import { actions } from "../../draft/actions";
import { GroundFields } from "./GroundFields";
import styles from "./base.module.css";

/** Whether a base lies on either side of the part, beside the individuals along it. */
export const besides = (s: Settings) =>
  s.structure === "horseshoe" ||
  s.structure === "part-line" ||
  (s.structure === "net-cap" && s.part.kind !== "none");

const names: Readonly<Record<OwnBase["part"], string>> = {
  behind: "Behind",
  sides: "At the sides",
  front: "In front, inside the ring",
  nape: "At the nape",
};

/** The parts of this head that may have a base of their own. */
function partsOf(s: Settings, rule: StructureRule): OwnBase["part"][] {
  if (!rule.base) return [];
  if (besides(s)) return ["behind", "sides"];
  return s.structure === "perimeter" || s.structure === "net-cap" ? ["behind", "front"] : [];
}

const nape: Omit<OwnBase, "part"> = { kind: "tracks", run: "horizontal", tracks: 1, tails: "tucked" };

/** Parts of the head with another base than the rest, and the row at the nape. */
export function OwnGrounds({ parting, rule }: { parting: Settings; rule: StructureRule }) {
  const act = useAct();
  const { base } = parting;
  const own = (part: OwnBase["part"]) => parting.grounds?.find((g) => g.part === part);
  const parts = partsOf(parting, rule);
  const atNape = !parting.napeGuard ? "none" : own("nape") ? "cornrow" : "individuals";
  return (
    <>
      {parts.length > 0 && (
        <section>
          <h3>Mixed on one head</h3>
          {parts.map((part) => {
            const ground = own(part);
            return (
              <div key={part} className={styles.own}>
                <Select<"rest" | "own">
                  aria-label={`Base ${names[part].toLowerCase()}`}
                  prefix={<span className={styles.what}>{names[part]}</span>}
                  value={ground ? "own" : "rest"}
                  options={[
                    { value: "rest", label: "as the rest" },
                    { value: "own", label: "of its own" },
                  ]}
                  onChange={(whose) =>
                    act(
                      actions.setGround(
                        part,
                        whose === "own"
                          ? {
                              kind: base.kind === "linked" ? "tracks" : "linked",
                              run: base.run,
                              tracks: part === "sides" ? base.sideTracks : base.tracks,
                              tails: base.tails,
                            }
                          : null,
                      ),
                    )
                  }
                />
                {ground && (
                  <GroundFields
                    whose={names[part]}
                    path={`parting.grounds[${(parting.grounds ?? []).indexOf(ground)}]`}
                    ground={ground}
                    individuals={part === "behind" && parting.structure === "front-design"}
                    onChange={(change) => act(actions.setGround(part, { ...ground, ...change }))}
                  />
                )}
              </div>
            );
          })}
        </section>
      )}
      {rule.napeGuard && (
        <section>
          <h3>The lowest row at the nape</h3>
          <Segmented<typeof atNape>
            block
            aria-label="The lowest row at the nape"
            className={styles.tight ?? ""}
            value={atNape}
            options={[
              { value: "none", label: "As the rest" },
              { value: "individuals", label: "Individuals" },
              { value: "cornrow", label: "One cornrow" },
            ]}
            onChange={(row) =>
              act(
                actions.changeParting(null, (s) => {
                  const others = (s.grounds ?? []).filter((g) => g.part !== "nape");
                  return {
                    ...s,
                    napeGuard: row !== "none",
                    grounds: row === "cornrow" ? [...others, { ...nape, part: "nape" }] : others,
                  };
                }),
              )
            }
          />
          <p className={panel.lead}>
            {atNape === "cornrow"
              ? "It takes in the ends of the plaits above: one tail is left."
              : "A row of individuals there hides the rest in an updo."}
          </p>
        </section>
      )}
    </>
  );
}
