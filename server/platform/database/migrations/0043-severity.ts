const renamed = [
  ['"weight":', '"severity":'],
  ['"must mend"', '"error"'],
  ['"worth mending"', '"warning"'],
  ['"good to know"', '"note"'],
] as const

/** How grave a finding is has the names that other programs use. What the rules found in feeds is looked for anew. */
export const statements: readonly string[] = renamed.map(
  ([before, now]) =>
    `UPDATE files SET findings = REPLACE(findings, '${before}', '${now}') WHERE findings LIKE '%${before}%'`,
)
