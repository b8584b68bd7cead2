/** Saves a file of the server's with the browser, under the name the server gives it. */
export function download(address: string) {
  const link = document.createElement("a");
  link.href = address;
  link.download = "";
  link.click();
}
