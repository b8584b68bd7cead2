import { useCallback, useMemo, useState } from "react";
import { useNavigate } from "react-router";
import { Refusal } from "../api/client";
import { usePerson } from "../api/queries";
import type { Stored } from "./autosave";
import { useMadeHere } from "../lib/madeHere";
import { ShelfPlace } from "../lib/shelf";

interface Found<T> {
  data: T | undefined;
  error: unknown;
}

/**
 * A card that is opened by its address, or a new one: what is stored of it, its place on the shelf, and what
 * happens once it is stored. One that was made here and never saved lies on the shelf alone.
 */
export function useCard<D, T>(kind: string, place: string, useFound: (id: string | undefined) => Found<T>) {
  const { id, isNew } = useMadeHere();
  const navigate = useNavigate();
  const person = usePerson();
  const [made, setMade] = useState<string>();
  const fresh = isNew || id === made;
  const shelf = useMemo(() => new ShelfPlace<D>(person.id, kind, id), [person.id, kind, id]);
  const found = useFound(fresh ? undefined : id);
  const onMade = useCallback(
    (created: Stored) => {
      setMade(created.id);
      void navigate(`/${place}/${created.id}`, { replace: true });
    },
    [navigate, place],
  );
  const unsaved = found.error instanceof Refusal && found.error.status === 404 ? shelf.look() : undefined;
  const opened = fresh ? undefined : found.data;
  return {
    id,
    shelf,
    onMade,
    opened,
    isThere: fresh || opened !== undefined || unsaved !== undefined,
    error: unsaved ? undefined : found.error,
  };
}
