/** How far the logs of proxies were read that send audio themselves; see delivery/proxyLog. */
export const statements: readonly string[] = [
  `CREATE TABLE proxy_logs (
    name VARCHAR(512) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin PRIMARY KEY,
    inode VARCHAR(20) NOT NULL,
    read_bytes BIGINT UNSIGNED NOT NULL
  ) CHARACTER SET utf8mb4`,
]
