const endings: Readonly<Record<string, string>> = { 'audio/mpeg': 'mp3', 'audio/mp4': 'm4a' }

/** The last part of the address of a delivered file: another content, another name. */
export const deliveredName = (file: { sha256: string; type: string }): string =>
  `${file.sha256.slice(0, 16)}.${endings[file.type]}`
