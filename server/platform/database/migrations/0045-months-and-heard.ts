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
  `REPLACE INTO download_months (show_id, dimension, month, label, downloads)
    SELECT show_id, dimension, CAST(DATE_FORMAT(day, '%Y-%m-01') AS DATE) AS first, label, SUM(downloads) FROM download_sums
    WHERE dimension IN (1, 2, 3, 4, 6, 7) AND episode_id = '00000000-0000-0000-0000-000000000000'
    GROUP BY show_id, dimension, first, label`,
  // How many heard a part of a file (0 to 99), and how many began to (100).
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
