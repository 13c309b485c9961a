/** How grave something is that was found, the gravest first. */
export const severities = ['error', 'warning', 'note'] as const
export type Severity = (typeof severities)[number]

export const severityNames: Readonly<Record<Severity, string>> = { error: 'Error', warning: 'Warning', note: 'Note' }
