/** Tables in and out. */
export const Files = () => null;
