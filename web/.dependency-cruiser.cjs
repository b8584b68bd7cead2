// Which folder of src may use which: from lib outward to the features, which meet only
// through their index. No circle stands.
const layers = ["lib", "api", "document", "ui", "head"];

/** A folder may use itself and those before it. */
const inward = layers.map((layer, i) => ({
  name: `${layer}-looks-inward`,
  severity: "error",
  from: { path: `^src/${layer}/` },
  to: {
    path: "^src/[^/]+/",
    pathNot: `^src/(${layers.slice(0, i + 1).join("|")})/`,
  },
}));

/** The rooms of a plan, one a step, from the plan that is edited outward to the workspace round them. */
const rooms = ["draft", "parting", "hair", "wish", "head", "attach", "day", "workspace"];
const roomsInward = rooms.map((room, i) => ({
  name: `plan-${room}-looks-inward`,
  severity: "error",
  from: { path: `^src/plan/${room}/` },
  to: { path: "^src/plan/[^/]+/", pathNot: `^src/plan/(${rooms.slice(0, i + 1).join("|")})/` },
}));

module.exports = {
  forbidden: [
    { name: "no-circle", severity: "error", from: {}, to: { circular: true } },
    ...inward,
    ...roomsInward,
    {
      name: "rooms-meet-through-their-index",
      severity: "error",
      from: { path: "^src/plan/([^/]+)/" },
      // What is drawn late is fetched from its file.
      to: {
        path: "^src/plan/[^/]+/.+",
        pathNot: ["^src/plan/draft/", "^src/plan/$1/", "^src/plan/[^/]+/index\\.ts$"],
        dynamic: false,
      },
    },
    {
      name: "features-meet-through-their-index",
      severity: "error",
      from: { path: "^src/([^/]+)/", pathNot: `^src/(${layers.join("|")})/` },
      to: {
        path: "^src/([^/]+)/.+",
        pathNot: [
          `^src/(${layers.filter((l) => l !== "head").join("|")})/`,
          "^src/$1/",
          "^src/[^/]+/index\\.ts$",
        ],
      },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    exclude: { path: "node_modules|\\.css$|src/chair/fold" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: { extensions: [".ts", ".tsx", ".js"] },
  },
};
