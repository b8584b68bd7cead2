import { Button } from "antd";
import { server } from "../../../api/client";
import { queryClient, useChange, useClient, useMay } from "../../../api/queries";
import type { PlanInput } from "../../../api/types";
import { usePreferences } from "../../../lib/preferences";
import { length } from "../../../lib/units";
import { LengthSlider, RefusedHere } from "../../../ui/fields";
import { isUsual, usualHairline } from "../../../ui/HairlineFields";
import styles from "../../../ui/panel.module.css";
import { Trouble } from "../../../ui/Trouble";
import { useAct } from "../../draft/act";
import { actions } from "../../draft/actions";

/** How the hairline departs from the usual one, and how much of it is left alone. */
export function HairlineWish({ input, clientId }: { input: PlanInput; clientId: string | undefined }) {
  const unit = usePreferences((p) => p.unit);
  const act = useAct();
  const { hairline, parting } = input;
  const edges = parting.edgesMm;
  return (
    <section>
      <h3>Hairline and edges</h3>
      <p className={styles.lead}>
        {isUsual(hairline)
          ? "The usual hairline. A high forehead, a peak, a receding temple or a low nape: choose Hairline above the head and drag its dots."
          : "The hairline is drawn as it was dragged, or as the client’s card has it."}
      </p>
      {!isUsual(hairline) && (
        <Button onClick={() => act(actions.setHairline(null, usualHairline))}>Usual hairline</Button>
      )}
      {clientId !== undefined && <KeepOnCard clientId={clientId} hairline={hairline} />}
      <div>
        <span>
          {edges > 0 ? `${length(edges, unit)} of edges left out all round` : "Edges are plaited in"}
        </span>
        <LengthSlider
          label="Edges left out all round"
          mm={edges}
          min={0}
          max={unit === "in" ? 25.4 : 20}
          onChange={(edgesMm) => act(actions.setParting("parting.edgesMm", { edgesMm }))}
        />
        <RefusedHere path="parting.edgesMm" />
      </div>
    </section>
  );
}

/** Writes the hairline on the client's card, where it belongs. */
function KeepOnCard({ clientId, hairline }: { clientId: string; hairline: PlanInput["hairline"] }) {
  const mayKeep = useMay("saveClient");
  const client = useClient(clientId).data;
  const keep = useChange(async () => {
    const { name, archived, facts, version } = await server.client(clientId);
    await server.saveClient(clientId, version, { name, archived, facts: { ...facts, hairline } });
    await queryClient.invalidateQueries({ queryKey: ["client", clientId] });
  });
  if (!client || !mayKeep || JSON.stringify(client.facts.hairline) === JSON.stringify(hairline)) return null;
  return (
    <>
      <Button loading={keep.isPending} onClick={() => keep.mutate(undefined)}>
        Keep on card
      </Button>
      {keep.error && <Trouble error={keep.error} />}
    </>
  );
}
