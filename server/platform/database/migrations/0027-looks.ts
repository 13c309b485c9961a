/** How the pages of a show look: as they go out, as they did before, and as somebody is trying it. */
export const statements: readonly string[] = [
  'ALTER TABLE shows ADD look JSON, ADD former_look JSON, ADD tried_look JSON, ADD look_version INT UNSIGNED NOT NULL DEFAULT 0',
  // seeds: the colours that stand out in it; see core/site/seeds.
  'ALTER TABLE pictures ADD seeds JSON',
]
