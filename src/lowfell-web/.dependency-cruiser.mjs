// Which folder may import from which: features rest on what all share and never on each other, and nothing goes round in a circle.
export default {
  forbidden: [
    { name: "no circles", severity: "error", from: {}, to: { circular: true } },
    {
      name: "features do not reach into each other",
      severity: "error",
      from: { path: "^src/features/([^/]+)/" },
      to: { path: "^src/features/", pathNot: "^src/features/$1/" },
    },
    {
      name: "what all share rests on no feature",
      severity: "error",
      from: { path: "^src/(api|kit|drawing|shared)/" },
      to: { path: "^src/(features/|[^/]+$)" },
    },
    {
      name: "the server is asked below everything else",
      severity: "error",
      from: { path: "^src/api/" },
      to: { path: "^src/(kit|drawing|shared)/" },
    },
    {
      name: "drawings and kit do not know the trade's forms",
      severity: "error",
      from: { path: "^src/(kit|drawing)/" },
      to: { path: "^src/shared/" },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
  },
};
