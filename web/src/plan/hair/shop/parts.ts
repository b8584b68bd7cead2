import { lazy } from "react";

/* What is drawn from the shopping of a plan loads together, once a part of it is opened or while nothing is going on. */

export const fetchShop = () => import("./index");

export const ToBuy = lazy(async () => ({ default: (await fetchShop()).ToBuy }));
export const StashAndOrders = lazy(async () => ({ default: (await fetchShop()).StashAndOrders }));
export const PackReach = lazy(async () => ({ default: (await fetchShop()).PackReach }));
export const OtherPieces = lazy(async () => ({ default: (await fetchShop()).OtherPieces }));
export const Prepare = lazy(async () => ({ default: (await fetchShop()).Prepare }));
