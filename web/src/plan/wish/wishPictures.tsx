import type { HeadWish } from "../../api/types";

type Look = NonNullable<HeadWish["look"]>;
type Full = NonNullable<HeadWish["full"]>;

const strand = { fill: "none", stroke: "currentColor", strokeWidth: 3, strokeLinecap: "round" } as const;

/** One strand of a look, drawn large enough to tell it from the others. */
const strands: Record<Look, (x: number) => React.ReactNode> = {
  locs: (x) => (
    <>
      <path d={`M${x} 6C${x - 3} 18 ${x + 3} 30 ${x} 46`} {...strand} strokeWidth={7} />
      {[13, 21, 29, 37].map((y) => (
        <path
          key={y}
          d={`M${x - 3} ${y}q3 3 6 0`}
          stroke="var(--raised)"
          strokeWidth="1.4"
          fill="none"
          strokeLinecap="round"
        />
      ))}
    </>
  ),
  twists: (x) => (
    <>
      <path d={`M${x - 3} 6${[0, 1, 2, 3].map(() => "q7 5 0 10").join("")}`} {...strand} />
      <path d={`M${x + 3} 6${[0, 1, 2, 3].map(() => "q-7 5 0 10").join("")}`} {...strand} />
    </>
  ),
  braids: (x) => (
    <>
      {[0, 1, 2, 3, 4].map((n) => (
        <path
          key={n}
          d={`M${x - 5} ${7 + 8 * n}l5 6l5 -6`}
          {...strand}
          strokeWidth={4}
          strokeLinejoin="round"
        />
      ))}
    </>
  ),
  curls: (x) => (
    <path
      d={`M${x} 6${[0, 1, 2, 3].map(() => "c8 1 8 9 0 8c-7 -1 -5 -6 0 -5").join("l0 6")}`}
      {...strand}
      strokeWidth={2.4}
    />
  ),
};

export const LookPicture = ({ look }: { look: Look }) => (
  <svg viewBox="0 0 60 52" width="60" height="52" aria-hidden>
    {[14, 30, 46].map((x) => (
      <g key={x}>{strands[look](x)}</g>
    ))}
  </svg>
);

/** Where the lines of the body lie on the picture, from the top. */
const lines: Record<string, number> = {
  chin: 22,
  shoulder: 29,
  armpit: 38,
  "mid-back": 48,
  waist: 58,
  hip: 67,
};

/** A figure from behind with hair down to a line; without one the line is open. */
export const LengthPicture = ({ to }: { to: string }) => {
  const end = lines[to];
  return (
    <svg viewBox="0 0 44 76" width="38" height="66" aria-hidden>
      <path
        d="M22 26c-9 1 -15 4 -16 10l-2 26h6l2 -16v26h20v-26l2 16h6l-2 -26c-1 -6 -7 -9 -16 -10z"
        fill="var(--skin, #b98d63)"
        opacity="0.55"
      />
      <circle cx="22" cy="14" r="8.5" fill="var(--skin, #b98d63)" opacity="0.7" />
      {end !== undefined && (
        <path d={`M12 14a10 10 0 0 1 20 0l1 ${end - 14}q-11 3 -22 0z`} fill="currentColor" />
      )}
      {end === undefined && <path d="M12 14a10 10 0 0 1 20 0v6h-20z" fill="currentColor" />}
    </svg>
  );
};

const counts: Record<Full, number> = { airy: 4, usual: 6, full: 9 };

export const FullPicture = ({ full }: { full: Full }) => {
  const n = counts[full];
  return (
    <svg viewBox="0 0 60 44" width="60" height="44" aria-hidden>
      {Array.from({ length: n }, (_, i) => {
        const x = 6 + (48 * (i + 0.5)) / n;
        return <path key={i} d={`M${x} 5v34`} {...strand} strokeWidth={4.4} />;
      })}
    </svg>
  );
};
