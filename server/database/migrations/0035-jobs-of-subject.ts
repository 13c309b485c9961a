/** Jobs are looked for by what they are about: with thousands of them open, each look read all. */
export const jobsOfSubject = ['ALTER TABLE jobs ADD INDEX IF NOT EXISTS of_subject (subject, kind, state)']
