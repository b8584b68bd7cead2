import { useLocation, useParams } from "react-router";
import { v4 as uuid } from "uuid";

/**
 * Something new gets its id here, on the device, and its address with it: so that it is
 * made once however often the request is repeated, and no two new ones share a place on
 * the shelf.
 */

/** Where a new one is made: `query` says what it starts from. */
export function newAddress(
  place: "plans" | "clients" | "supplies/items",
  query: Readonly<Record<string, string>> = {},
  step?: string,
): string {
  const asked = new URLSearchParams({ new: "", ...query }).toString();
  return `/${place}/${uuid()}${step === undefined ? "" : `/${step}`}?${asked}`;
}

/** The id in the address, whether it is of something new, and what that starts from. */
export function useMadeHere() {
  const { id = "" } = useParams();
  const query = Object.fromEntries(new URLSearchParams(useLocation().search));
  const { new: isNew, ...from } = query;
  return { id, isNew: isNew !== undefined, from };
}
