import { Skeleton } from "antd";
import type { ReactNode } from "react";
import { Navigate } from "react-router";
import { useCatalogue } from "../api/queries";
import { useCard } from "../document/useCard";
import { newAddress } from "../lib/madeHere";
import { Header } from "./Header";
import { Trouble } from "./Trouble";
import styles from "./CardFrame.module.css";

type Card<D, T> = ReturnType<typeof useCard<D, T>>;

interface Props<D, T> {
  kind: string;
  /** The address the cards of the kind lie under. */
  place: Parameters<typeof newAddress>[0];
  useFound: Parameters<typeof useCard<D, T>>[2];
  children: (card: Pick<Card<D, T>, "id" | "shelf" | "onMade" | "opened">) => ReactNode;
}

/** Opens a card by its address, or a new one, once it and what it chooses from are there. */
export function CardDoor<D, T>({ kind, place, useFound, children }: Props<D, T>) {
  const catalogue = useCatalogue();
  const { isThere, error, ...card } = useCard<D, T>(kind, place, useFound);
  const trouble = catalogue.error ?? error;
  if (card.id === "new") return <Navigate to={newAddress(place)} replace />;
  if (catalogue.data && isThere) return children(card);
  return (
    <>
      <Header />
      <main className={styles.waiting}>{trouble ? <Trouble error={trouble} /> : <Skeleton active />}</main>
    </>
  );
}
