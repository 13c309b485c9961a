/** What a show's downloads come to by the month, so that years are read as quickly as weeks; how far episodes were heard, and a mail about each week. */
export const statements: readonly string[] = [
  // As download_sums of all episodes, by what months are asked for (app, device, place, source, local-hour, refusal); month is its first day.
  `CREATE TABLE IF NOT EXISTS download_months (
    show_id UUID NOT NULL,
    dimension TINYINT UNSIGNED NOT NULL,
    month DATE NOT NULL,
    label INT UNSIGNED NOT NULL,
    downloads INT NOT NULL,
    PRIMARY KEY (show_id, dimension, month, label)
  )`,
  // Months before this day stand there; who counts sums up the others when they are over.
  'ALTER TABLE counting ADD COLUMN IF NOT EXISTS months_to DATE NULL',
  // How many more heard a part of a file (0 to 99) than the part before it, and how many began to (100).
  `CREATE TABLE IF NOT EXISTS heard_sums (
    show_id UUID NOT NULL,
    episode_id UUID NOT NULL,
    file_id UUID NOT NULL,
    part TINYINT UNSIGNED NOT NULL,
    listeners INT NOT NULL,
    PRIMARY KEY (show_id, episode_id, file_id, part)
  )`,
  // The Monday (UTC) on which people were last written what the week before came to.
  `CREATE TABLE IF NOT EXISTS weekly_told (
    show_id UUID PRIMARY KEY REFERENCES shows (id) ON DELETE CASCADE,
    week DATE NOT NULL
  )`,
]
