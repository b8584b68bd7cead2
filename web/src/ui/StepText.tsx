import { Fragment } from "react";
import type { Step } from "../api/types";
import { usePreferences } from "../lib/preferences";
import { length } from "../lib/units";

/** A step's words with its lengths put in, in bold so that they are found at a glance. */
export function StepText({ step: { text, lengthsMm = {} } }: { step: Step }) {
  const unit = usePreferences((p) => p.unit);
  return text.split(/\{(\w+)\}/).map((part, i) => {
    const mm = lengthsMm[part];
    return i % 2 === 1 && mm !== undefined ? (
      <strong key={i}>{length(mm, unit)}</strong>
    ) : (
      <Fragment key={i}>{part}</Fragment>
    );
  });
}
