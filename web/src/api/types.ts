import type { components } from "./schema";

type Schemas = components["schemas"];

export type PlanInput = Schemas["Input"];
export type PlanResult = Schemas["Result"];
export type PlanEntry = Schemas["PlanEntry"];
export type PlanDocument = Schemas["PlanDocument"];
export type PlanDraft = Schemas["PlanDraft"];
export type PlanVersion = Schemas["PlanVersion"];
export type Change = Schemas["Change"];
export type ClientEntry = Schemas["ClientEntry"];
export type ClientDocument = Schemas["ClientDocument"];
export type ClientDraft = Schemas["ClientDraft"];
export type Facts = Schemas["Facts"];
export type Person = Schemas["PersonEntry"];
export type Role = Person["role"];
export type Catalogue = Schemas["Catalogue"];
export type Tapes = Schemas["Tapes"];
export type Section = Schemas["Section"];
export type Layout = Schemas["Layout"];
export type Tally = Schemas["Tally"];
export type Method = Schemas["Method"];
export type Piece = Schemas["Piece"];
export type Order = Schemas["Order"];
export type Warning = Schemas["Warning"];
export type HeadShape = Schemas["Head"];
export type Size = Schemas["Size"];
