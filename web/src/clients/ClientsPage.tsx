import { PlusOutlined, RightOutlined, SearchOutlined } from "@ant-design/icons";
import { Button, Empty, Segmented, Skeleton } from "antd";
import Input from "antd/es/input/Input";
import { useDeferredValue, useState } from "react";
import { Link, useNavigate } from "react-router";
import { useClients, useMay } from "../api/queries";
import type { ClientDraft } from "../api/types";
import { newAddress } from "../lib/madeHere";
import { MoreButton } from "../ui/MoreButton";
import { NeverSaved } from "../ui/NeverSaved";
import { Page } from "../ui/Page";
import { Trouble } from "../ui/Trouble";
import { when } from "../lib/units";
import styles from "./ClientsPage.module.css";
import { countOf } from "../lib/countOf";

/** The people who come to the studio. */
function ClientsPage() {
  const [search, setSearch] = useState("");
  const [archived, setArchived] = useState(false);
  const clients = useClients(useDeferredValue(search), archived);
  const mayAdd = useMay("createClient");
  const navigate = useNavigate();
  return (
    <Page
      title="Clients"
      lead="Head, hair and what calls for caution, so that nothing is asked or measured twice."
      actions={
        mayAdd && (
          <Button
            type="primary"
            size="large"
            icon={<PlusOutlined />}
            onClick={() => void navigate(newAddress("clients"))}
          >
            New client
          </Button>
        )
      }
    >
      <NeverSaved<ClientDraft>
        kind="client"
        place="clients"
        nameOf={(draft) => draft.name || "Someone without a name"}
      />
      <div className={styles.tools}>
        <Input
          size="large"
          prefix={<SearchOutlined />}
          placeholder="Find by name"
          aria-label="Find a client by name"
          allowClear
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <Segmented<boolean>
          size="large"
          value={archived}
          options={[
            { value: false, label: "Coming" },
            { value: true, label: "Archived" },
          ]}
          onChange={setArchived}
        />
      </div>
      {clients.isPending && <Skeleton active />}
      {clients.error && <Trouble error={clients.error} retry={() => void clients.refetch()} />}
      {clients.items?.length === 0 && (
        <Empty
          image={Empty.PRESENTED_IMAGE_SIMPLE}
          description={
            search
              ? `No one named like “${search}”${archived ? " among the archived" : ""}.`
              : archived
                ? "No one is archived."
                : "No clients yet. Put the first one on file: name, three tapes, their hair."
          }
        />
      )}
      <ul className={styles.list}>
        {clients.items?.map((c) => (
          <li key={c.id}>
            <Link to={`/clients/${c.id}`}>
              <strong>{c.name}</strong>
              <span>{c.plans === 0 ? "no plan yet" : countOf(c.plans, "plan")}</span>
              <small>changed {when(c.updated)}</small>
              <RightOutlined aria-hidden />
            </Link>
          </li>
        ))}
      </ul>
      <MoreButton more={clients.more} busy={clients.fetchingMore} />
    </Page>
  );
}

export default ClientsPage;
