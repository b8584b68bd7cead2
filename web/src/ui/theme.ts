import { theme, type ThemeConfig } from "antd";

/** The studio's colours: warm paper, ink, leaf, marigold and brick. */
export const palette = {
  day: {
    paper: "#f6efe2",
    sheet: "#fffaf0",
    raised: "#fffdf8",
    ink: "#2a231c",
    soft: "#675b4d",
    line: "#dccfb8",
    leaf: "#2e5a38",
    leafSoft: "#e3ebd9",
    onLeaf: "#fffdf8",
    marigold: "#c67f0a",
    marigoldSoft: "#fbe9c4",
    brick: "#a23a26",
  },
  dim: {
    paper: "#1d1a16",
    sheet: "#27231e",
    raised: "#2f2a24",
    ink: "#f1e8d8",
    soft: "#b9ad9b",
    line: "#463e34",
    leaf: "#8cc08f",
    leafSoft: "#2f3d30",
    onLeaf: "#16130f",
    marigold: "#e9ac3f",
    marigoldSoft: "#4a3a1c",
    brick: "#eb8f79",
  },
} as const;

export const textFace = '"Atkinson Hyperlegible Next Variable", "Noto Sans Variable", system-ui, sans-serif';

/** Whether this person asked their machine for little motion. */
export const calm = () => window.matchMedia("(prefers-reduced-motion: reduce)").matches;

export function themeOf(dim: boolean): ThemeConfig {
  const c = palette[dim ? "dim" : "day"];
  return {
    algorithm: dim ? theme.darkAlgorithm : theme.defaultAlgorithm,
    token: {
      fontFamily: textFace,
      fontSize: 15,
      colorPrimary: c.leaf,
      colorInfo: c.leaf,
      colorInfoBg: c.leafSoft,
      colorInfoBorder: c.line,
      colorSuccess: c.leaf,
      colorSuccessBg: c.leafSoft,
      colorSuccessBorder: c.line,
      colorWarning: c.marigold,
      colorError: c.brick,
      colorTextBase: c.ink,
      colorTextSecondary: c.soft,
      colorTextDescription: c.soft,
      colorTextPlaceholder: c.soft,
      colorBgBase: c.sheet,
      colorBgLayout: c.paper,
      colorBgContainer: c.raised,
      colorBgElevated: c.raised,
      colorBorder: c.line,
      colorBorderSecondary: c.line,
      colorTextLightSolid: c.onLeaf,
      borderRadius: 10,
      controlHeight: 40,
      wireframe: false,
      motion: !calm(),
    },
    components: {
      Segmented: {
        itemSelectedBg: c.leaf,
        itemSelectedColor: c.onLeaf,
        trackBg: c.leafSoft,
        itemColor: c.ink,
      },
      Card: { bodyPadding: 16 },
    },
  };
}
