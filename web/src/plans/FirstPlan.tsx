import { PlusOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { useNavigate } from "react-router";
import { newAddress } from "../lib/madeHere";
import styles from "./FirstPlan.module.css";

/** What a newcomer sees: what to do first. */
export function FirstPlan({ anyClient }: { anyClient: boolean }) {
  const navigate = useNavigate();
  return (
    <section className={styles.first}>
      <h2>Start with a tape measure</h2>
      <ol>
        <li>Take three lengths: around the head, front to nape, ear to ear.</li>
        <li>Choose grid or brick and how large the sections are.</li>
        <li>Read off sections, pieces, packs to buy and hours.</li>
      </ol>
      <p>Five minutes, and it is saved as you go. No tape at hand? Start from a head size.</p>
      <div>
        <Button
          type="primary"
          size="large"
          icon={<PlusOutlined />}
          onClick={() => void navigate(newAddress("plans"))}
        >
          Make first plan
        </Button>
        <Button size="large" onClick={() => void navigate(anyClient ? "/clients" : newAddress("clients"))}>
          {anyClient ? "Choose a client" : "Add a client"}
        </Button>
      </div>
    </section>
  );
}
