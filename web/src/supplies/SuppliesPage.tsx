import { PlusOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { useState, type ReactNode } from "react";
import { NavLink, Navigate, useNavigate, useParams } from "react-router";
import { useMay } from "../api/queries";
import { newAddress } from "../lib/madeHere";
import { Page } from "../ui/Page";
import { Files } from "./Files";
import { ItemList } from "./ItemList";
import { NewLot } from "./NewLot";
import { OrderList } from "./OrderList";
import { Stash } from "./Stash";
import { StashYear } from "./StashYear";
import { SupplierForm } from "./SupplierForm";
import { SupplierList } from "./SupplierList";
import styles from "./SuppliesPage.module.css";

const parts = {
  stash: { title: "Stash", lead: "What lies here, what is promised to whom, and what happened to it." },
  items: { title: "Pieces", lead: "Every product on file: measured, weighed and priced once." },
  orders: { title: "Orders", lead: "What is to be ordered, what is under way, and how it came." },
  year: { title: "The year", lead: "What came over a year, what became of it, and what is left." },
  suppliers: {
    title: "Suppliers",
    lead: "Whom you order from, how they deliver, and how their packs came.",
  },
  files: {
    title: "In and out",
    lead: "Pieces, stash and orders as tables, to carry elsewhere or to read in.",
  },
} as const;

type PartKey = keyof typeof parts;

const isPart = (key: string): key is PartKey => key in parts;

/** What there is, what is coming, and whom to ask for more. */
function SuppliesPage() {
  const { part = "stash" } = useParams();
  const [adding, setAdding] = useState<"lot" | "supplier">();
  const navigate = useNavigate();
  const mayAdd = useMay("createItem");
  const action = (label: string, go: () => void) => (
    <Button type="primary" size="large" icon={<PlusOutlined />} onClick={go}>
      {label}
    </Button>
  );
  const actions: Partial<Record<string, ReactNode>> = {
    stash: action("Put into the stash", () => setAdding("lot")),
    ...(mayAdd && {
      items: action("New piece or thing", () => void navigate(newAddress("supplies/items"))),
      suppliers: action("New supplier", () => setAdding("supplier")),
    }),
  };
  if (!isPart(part)) return <Navigate to="/supplies" replace />;
  return (
    <Page title="Supplies" lead={parts[part].lead} actions={actions[part]}>
      <nav className={styles.parts} aria-label="Supplies">
        {Object.entries(parts).map(([key, { title }]) => (
          <NavLink key={key} to={`/supplies/${key}`} className={key === part ? styles.here : undefined}>
            {title}
          </NavLink>
        ))}
      </nav>
      {part === "stash" && <Stash />}
      {part === "items" && <ItemList />}
      {part === "orders" && <OrderList />}
      {part === "year" && <StashYear />}
      {part === "suppliers" && <SupplierList onAdd={() => setAdding("supplier")} />}
      {part === "files" && <Files />}
      {adding === "lot" && <NewLot onClose={() => setAdding(undefined)} />}
      {adding === "supplier" && <SupplierForm onClose={() => setAdding(undefined)} />}
    </Page>
  );
}

export default SuppliesPage;
