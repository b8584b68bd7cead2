import { Button } from "antd";
import styles from "./MoreButton.module.css";

/** The next page of a list, where there is one. */
export const MoreButton = ({ more, busy }: { more: (() => void) | undefined; busy: boolean }) =>
  more ? (
    <Button size="large" className={styles.more ?? ""} loading={busy} onClick={more}>
      Show more
    </Button>
  ) : null;
