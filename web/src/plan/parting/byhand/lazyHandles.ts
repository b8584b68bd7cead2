import { lazy } from "react";

/* What is dragged by hand loads once a tool is taken that has it, or while nothing is going on. */

export const fetchHandles = () => import("./handles");

export const HairlineHandles = lazy(async () => ({ default: (await fetchHandles()).HairlineHandles }));
export const PartHandles = lazy(async () => ({ default: (await fetchHandles()).PartHandles }));
export const RowHandles = lazy(async () => ({ default: (await fetchHandles()).RowHandles }));
