/** What was delivered, for the numbers that are counted from it. */
export const deliveries: readonly string[] = [
  // of_episode, of_show: numbers are counted by the day for one of either.
  `CREATE TABLE delivery_log (
    id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    at DATETIME(3) NOT NULL,
    kind ENUM('media', 'feed') NOT NULL,
    show_id UUID NOT NULL,
    episode_id UUID NULL,
    status SMALLINT UNSIGNED NOT NULL,
    bytes_sent BIGINT UNSIGNED NULL,
    from_byte BIGINT UNSIGNED NULL,
    to_byte BIGINT UNSIGNED NULL,
    agent VARCHAR(255) NOT NULL,
    address VARCHAR(45) CHARACTER SET ascii NOT NULL,
    INDEX of_episode (episode_id, at),
    INDEX of_show (show_id, kind, at)
  ) CHARACTER SET utf8mb4`,
]
