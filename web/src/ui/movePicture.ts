/** The address of a still of a drawn move: for which hand, and whether it comes off. */
export function pictureOf(figure: string, still: number, left: boolean, back: boolean): string {
  const query = `${left ? "&left=true" : ""}${back ? "&back=true" : ""}`.replace("&", "?");
  return `/api/v1/figures/${figure}/${still}/picture.svg${query}`;
}
