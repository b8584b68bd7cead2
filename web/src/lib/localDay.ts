let zone: string | undefined;

/** Has days and times be those of the studio's zone from now on; without a name, those of this device. */
export function setZone(name: string | undefined): void {
  try {
    Intl.DateTimeFormat(undefined, { timeZone: name });
    zone = name;
  } catch {
    zone = undefined; // one that this browser does not know
  }
}

/** The zone that days and times are of; undefined for that of this device. */
export const zoneNow = () => zone;

/** The day of a time as the studio's calendar has it, YYYY-MM-DD: late in the evening another day than in UTC. */
export function localDay(now = new Date()): string {
  const parts = new Intl.DateTimeFormat("en", {
    timeZone: zone,
    year: "numeric",
    month: "2-digit",
    day: "2-digit",
  }).formatToParts(now);
  const of = (type: string) => parts.find((p) => p.type === type)?.value ?? "";
  return `${of("year")}-${of("month")}-${of("day")}`;
}
