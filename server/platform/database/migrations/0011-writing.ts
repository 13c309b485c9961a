/** What is written about an episode beside title and notes, and what a show has ready for it. */
export const statements: readonly string[] = [
  `ALTER TABLE episodes
    ADD hook VARCHAR(4000) NOT NULL DEFAULT '',
    ADD tags JSON NOT NULL DEFAULT '[]',
    ADD people JSON NOT NULL DEFAULT '[]',
    ADD links JSON NOT NULL DEFAULT '[]',
    ADD artwork_id CHAR(64) NULL,
    ADD extras JSON NOT NULL DEFAULT '{"explicit":null,"author":null,"page":null,"discussion":null,"isPromotion":false,"licence":null,"place":null}',
    ADD INDEX by_artwork (artwork_id)`,
  `ALTER TABLE shows
    ADD title_pattern VARCHAR(120) NOT NULL DEFAULT '{title}',
    ADD notes_template MEDIUMTEXT NOT NULL DEFAULT '',
    ADD usual_links JSON NOT NULL DEFAULT '[]',
    ADD usual_tags JSON NOT NULL DEFAULT '[]',
    ADD hosts JSON NOT NULL DEFAULT '[]'`,
]
