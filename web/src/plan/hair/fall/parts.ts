import { lazy } from "react";

/* What is told of fit, fall and price loads together, once a part of it is opened or while nothing is going on. */

export const fetchFall = () => import("./index");

export const Cost = lazy(async () => ({ default: (await fetchFall()).Cost }));
export const Falls = lazy(async () => ({ default: (await fetchFall()).Falls }));
export const FitAndLoad = lazy(async () => ({ default: (await fetchFall()).FitAndLoad }));
export const Landing = lazy(async () => ({ default: (await fetchFall()).Landing }));
