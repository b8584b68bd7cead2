import { Alert, Button } from "antd";
import { Link } from "react-router";
import { useAtChair } from "../../api/queries";
import { newAddress } from "../../lib/madeHere";
import styles from "./PlanWorkspace.module.css";

/** Says that a plan is or was at the chair, and how to go on with it. */
export function AtChairNote({ plan, install }: { plan: string; install: string }) {
  const goesOn = useAtChair().data?.some((i) => i.id === install);
  return (
    <Alert
      type="info"
      showIcon
      title={
        goesOn ? "At the chair: this plan stays as it is" : "This plan was at the chair and stays as it was"
      }
      action={
        <div className={styles.lookBack}>
          <Link to={goesOn ? `/chair/${install}` : `/log/${install}`}>
            <Button>{goesOn ? "To the chair" : "How it went"}</Button>
          </Link>
          <Link to={newAddress("plans", { from: plan })}>
            <Button type="primary">Copy and edit</Button>
          </Link>
        </div>
      }
    />
  );
}
