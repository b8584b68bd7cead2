import type { components } from "./schema";

type Schemas = components["schemas"];

export type PlanInput = Schemas["Input"];
export type PlanResult = Schemas["Result"];
export type PlanEntry = Schemas["PlanEntry"];
export type PlanDocument = Schemas["PlanDocument"];
export type Catalogue = Schemas["Catalogue"];
export type Section = Schemas["Section"];
export type Layout = Schemas["Layout"];
export type Tally = Schemas["Tally"];
export type Method = Schemas["Method"];
export type Piece = Schemas["Piece"];
export type Order = Schemas["Order"];
export type Warning = Schemas["Warning"];
export type HeadShape = Schemas["Head"];
export type Size = Schemas["Size"];
