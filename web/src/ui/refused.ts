import { Refusal } from "../api/client";

/** The messages of a refusal by the fields they are about; none for any other error. */
export const refusedFields = (error: unknown): Readonly<Record<string, string>> =>
  error instanceof Refusal ? error.fields : {};
