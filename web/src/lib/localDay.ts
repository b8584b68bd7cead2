/** Today as the calendar here has it, YYYY-MM-DD: late in the evening another day than in UTC. */
export function localDay(now = new Date()): string {
  const two = (n: number) => String(n).padStart(2, "0");
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}
