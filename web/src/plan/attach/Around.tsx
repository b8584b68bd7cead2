import { useCatalogue } from "../../api/queries";
import type { PlanInput, Step } from "../../api/types";
import { ChoiceField } from "../../ui/fields";
import { Fold } from "../../ui/Fold";
import { useAct } from "../draft/act";
import { actions } from "../draft/actions";
import { StepList } from "./moves/StepList";

interface Props {
  input: PlanInput;
  before: readonly Step[];
  after: readonly Step[];
}

/** What is done before the first piece and after the last one, and where it is done otherwise here. */
export function Around({ input, before, after }: Props) {
  const act = useAct();
  const schools = useCatalogue().data?.schools.filter((s) => s.custom) ?? [];
  return (
    <>
      <h3>Before the first piece</h3>
      <StepList steps={before} />
      <h3>After the last one</h3>
      <StepList steps={after} />
      <Fold title="Done differently here">
        {schools.map((s) => (
          <ChoiceField
            key={s.key}
            label={s.ask}
            path={`customs.${s.key}`}
            value={input.customs?.[s.key] ?? s.usual}
            options={s.sides.map(({ key, name, reason }) => ({ key, name, help: reason }))}
            onChange={(side) => act(actions.setCustom(s.key, side))}
          />
        ))}
      </Fold>
    </>
  );
}
