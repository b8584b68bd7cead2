import { Button, Radio } from "antd";
import { Fragment } from "react";
import type { Catalogue, Method, PlanInput, PlanResult, Step } from "../api/types";
import { usePreferences } from "../app/preferences";
import { hours, length, type LengthUnit } from "../app/units";
import type { Change } from "./draft";
import { LengthField } from "../app/fields";
import { formNames } from "./forms";
import styles from "./steps.module.css";

interface Props {
  input: PlanInput;
  result: PlanResult;
  catalogue: Catalogue;
  change: Change;
}

/** How the pieces go on: method, what it takes, its steps and its hours. */
export function AttachStep({ input, result, catalogue, change }: Props) {
  const unit = usePreferences((p) => p.unit);
  const { work, method, hooking, hours: time, hair } = result;
  const suits = (m: Method) => m.takes.includes(input.piece.form);
  const choose = (m: Method) => {
    const other = catalogue.pieces.find((p) => m.takes.includes(p.form));
    change(null, (i) => ({
      ...i,
      attach: { ...i.attach, method: m.id },
      // A method that can not use the piece brings one that it can.
      piece: !suits(m) && other ? { ...other, perSection: i.piece.perSection } : i.piece,
    }));
  };
  return (
    <div className={styles.step}>
      {hair.pieces > hair.hooked && (
        <>
          <section>
            <h2>{hooking ? "On the plaits" : "Method"}</h2>
            <Radio.Group
              className={styles.methods ?? ""}
              value={input.attach.method}
              onChange={(event) => {
                const chosen = catalogue.methods.find((m) => m.id === event.target.value);
                if (chosen) choose(chosen);
              }}
            >
              {catalogue.methods.map((m) => (
                <Radio key={m.id} value={m.id} className={styles.method ?? ""}>
                  <strong>{m.name}</strong>
                  <span className={styles.family}>{m.family}</span>
                  <p>{m.summary}</p>
                  {!suits(m) && (
                    <p className={styles.brings}>
                      Takes {m.takes.map((t) => formNames[t].toLowerCase()).join(" or ")}: choosing it changes
                      the piece.
                    </p>
                  )}
                </Radio>
              ))}
            </Radio.Group>
          </section>

          <section>
            <h2>For each plait</h2>
            <dl className={styles.facts}>
              <dt>Plait to hide</dt>
              <dd>
                {length(work.hiddenMm, unit)}, about {hair.plaitDiameterMm.toFixed(1)} mm thick
              </dd>
              {work.passes > 0 && (
                <>
                  <dt>Passes</dt>
                  <dd>
                    {work.passes}, {length(input.attach.pitchMm, unit)} apart
                  </dd>
                </>
              )}
              {work.wrapRibbonMm > 0 && (
                <>
                  <dt>Wrapping hair</dt>
                  <dd>
                    {length(work.wrapRibbonMm, unit)} in {Math.round(work.wrapTurns)} turns:{" "}
                    {hair.wrapStrandsPerPiece} {hair.wrapStrandsPerPiece === 1 ? "strand" : "strands"}
                  </dd>
                </>
              )}
              <dt>Minutes to attach and hide</dt>
              <dd>
                {work.attachMin.toFixed(1)} + {work.concealMin.toFixed(1)} min
              </dd>
            </dl>
            {work.passes > 0 && (
              <LengthField
                label="Distance between passes"
                path="attach.pitchMm"
                mm={input.attach.pitchMm}
                onChange={(pitchMm) =>
                  change("attach.pitch", (i) => ({ ...i, attach: { ...i.attach, pitchMm } }))
                }
              />
            )}
            {!suits(method) && (
              <Button onClick={() => choose(method)}>Change the piece to one this method takes</Button>
            )}
          </section>

          <section>
            <h2>Steps</h2>
            <Steps steps={work.steps} />
            <dl className={styles.facts}>
              <dt>Root</dt>
              <dd>{method.root}</dd>
              <dt>Washing</dt>
              <dd>{method.wash}</dd>
              <dt>Usual wear</dt>
              <dd>
                {method.wearWeeks[0]} to {method.wearWeeks[1]} weeks
              </dd>
              <dt>To take it off</dt>
              <dd>{method.undo}</dd>
            </dl>
          </section>
        </>
      )}

      {hooking && (
        <section>
          <h2>{hooking.name}</h2>
          <p className={styles.lead}>
            <strong>{hooking.pieces} pieces</strong>. {hooking.summary}
          </p>
          <Steps steps={hooking.steps} />
          <dl className={styles.facts}>
            <dt>Root</dt>
            <dd>{hooking.root}</dd>
            <dt>To take it off</dt>
            <dd>{hooking.undo}</dd>
          </dl>
        </section>
      )}

      <p className={styles.caution}>
        Pain, bumps or stinging mean too tight: loosen now. Nothing on sore, broken or infected scalp; with
        hair loss or a recent chemical service ask a clinician first.
      </p>

      <section>
        <h2>Hours</h2>
        <table className={`${styles.table} ${styles.hours}`}>
          <thead>
            <tr>
              <th scope="col">Stage</th>
              <th scope="col">Likely</th>
              <th scope="col">From – to</th>
            </tr>
          </thead>
          <tbody>
            {time.stages.map((s) => (
              <tr key={s.name}>
                <th scope="row">{s.name}</th>
                <td>{hours(s.minutes.likely)}</td>
                <td>
                  {hours(s.minutes.low)} – {hours(s.minutes.high)}
                </td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <th scope="row">All, without breaks</th>
              <td>{hours(time.total.likely)}</td>
              <td>
                {hours(time.total.low)} – {hours(time.total.high)}
              </td>
            </tr>
          </tfoot>
        </table>
      </section>
    </div>
  );
}

/** Numbered steps, their lengths in the reader's unit. */
function Steps({ steps }: { steps: Step[] }) {
  const unit = usePreferences((p) => p.unit);
  return (
    <ol className={styles.steps}>
      {steps.map((s) => (
        <li key={s.text}>{stepText(s.text, s.lengthsMm ?? {}, unit)}</li>
      ))}
    </ol>
  );
}

/** A step's words with its lengths put in, in bold so that they are found at a glance. */
function stepText(text: string, lengths: Record<string, number>, unit: LengthUnit) {
  return text.split(/\{(\w+)\}/).map((part, i) => {
    const mm = lengths[part];
    return i % 2 === 1 && mm !== undefined ? (
      <strong key={i}>{length(mm, unit)}</strong>
    ) : (
      <Fragment key={i}>{part}</Fragment>
    );
  });
}
