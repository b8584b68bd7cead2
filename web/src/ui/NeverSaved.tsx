import { Button } from "antd";
import { useState } from "react";
import { Link } from "react-router";
import { usePerson } from "../api/queries";
import styles from "./NeverSaved.module.css";
import { neverSaved, ShelfPlace } from "../lib/shelf";

interface Props<D> {
  kind: string;
  place: "plans" | "clients" | "supplies/items";
  nameOf: (draft: D) => string;
}

/** What you began on this device and what never reached the studio: nothing typed is lost. */
export function NeverSaved<D>({ kind, place, nameOf }: Props<D>) {
  const { id: person } = usePerson();
  const [found, setFound] = useState(() => neverSaved<D>(person, kind));
  if (found.length === 0) return null;
  const drop = (id: string) => {
    new ShelfPlace<D>(person, kind, id).clear();
    setFound(found.filter((f) => f.id !== id));
  };
  return (
    <section className={styles.kept}>
      <h2>Begun on this device, not saved yet</h2>
      <ul>
        {found.map(({ id, draft }) => (
          <li key={id}>
            <Link to={`/${place}/${id}?new=`}>{nameOf(draft)}</Link>
            <Button size="large" onClick={() => drop(id)} aria-label={`Throw away ${nameOf(draft)}`}>
              Throw away
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
