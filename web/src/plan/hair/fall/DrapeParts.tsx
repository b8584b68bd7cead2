import { Segmented, Spin, Switch } from "antd";
import type { Drape, DrapeStyle } from "../../../api/types";
import { vec, type Camera } from "../../../head";
import styles from "./DrapeLayer.module.css";
import { styleNames, useWorn } from "../../draft/worn";

/** How the hair is worn, and whether what shows is marked. */
export function DrapeSettings({ busy }: { busy: boolean }) {
  const { style, cover, set } = useWorn();
  return (
    <div className={styles.settings}>
      <Segmented<DrapeStyle>
        aria-label="Worn"
        value={style}
        options={(Object.keys(styleNames) as DrapeStyle[]).map((value) => ({
          value,
          label: styleNames[value],
        }))}
        onChange={(value) => set({ style: value, pointed: undefined })}
      />
      <label>
        <Switch
          size="small"
          aria-label="Mark what shows"
          checked={cover}
          onChange={(on) => set({ cover: on })}
        />{" "}
        <span>Mark what shows</span>
      </label>
      {busy && <Spin size="small" />}
    </div>
  );
}

/** Marks where cornrow and scalp show, those that are pointed at apart. */
export function DrapeMarks({ drape, camera }: { drape: Drape; camera: Camera }) {
  const { cover, pointed } = useWorn();
  if (!cover) return null;
  return (
    <g className={styles.marks} aria-hidden>
      {drape.cover.shows.map((s, i) =>
        s.points.map((at, k) => {
          const p = vec(at);
          if (camera.facing(p) < 0.12) return null;
          const [x, y] = camera.flat(p);
          return <circle key={`${i}.${k}`} cx={x} cy={y} r={2.2} data-pointed={s.name === pointed?.name} />;
        }),
      )}
    </g>
  );
}
