import { Alert, Button } from "antd";
import { Link } from "react-router";
import type { PlanInput } from "../../api/types";

/** Says that a plan does only the outer rows of a head that is worn again, and where that head is. */
export function RedoNote({ redo }: { redo: NonNullable<PlanInput["redo"]> }) {
  return (
    <Alert
      type="info"
      showIcon
      title={
        redo.rows === 1
          ? "Only the row at the hairline is done again; the rest stays as it hangs."
          : "Only the two outer rows are done again; the rest stays as it hangs."
      }
      action={
        <Link to={`/wear/${redo.install}`}>
          <Button>The head worn</Button>
        </Link>
      }
    />
  );
}
