import { Page } from "../ui/Page";
import styles from "./HouseRulesPage.module.css";
import { Letters } from "./Letters";
import { OwnSignIn } from "./OwnSignIn";
import { People } from "./People";
import { Schools } from "./Schools";
import { Studio } from "./Studio";
import { Terms } from "./Terms";

/** The people of the studio and one's own sign-in. */
function HouseRulesPage() {
  return (
    <Page title="House rules" lead="What holds for the whole studio, who works here, and your own sign-in.">
      <div className={styles.columns}>
        <div className={styles.column}>
          <People />
          <Studio />
        </div>
        <Terms />
        <Letters />
        <OwnSignIn />
        <Schools />
      </div>
    </Page>
  );
}

export default HouseRulesPage;
