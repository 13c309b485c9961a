/**
 * What somebody does in an episode, by group: the list that the open podcast namespace publishes for its `person` element,
 * from memory.
 */
export const roleGroups = {
  'Creative Direction': [
    'Director',
    'Assistant Director',
    'Executive Producer',
    'Senior Producer',
    'Producer',
    'Associate Producer',
    'Development Producer',
    'Creative Director',
  ],
  Cast: ['Host', 'Co-Host', 'Guest Host', 'Guest', 'Voice Actor', 'Narrator', 'Announcer', 'Reporter'],
  Writing: [
    'Author',
    'Editorial Director',
    'Co-Writer',
    'Writer',
    'Songwriter',
    'Guest Writer',
    'Story Editor',
    'Managing Editor',
    'Script Editor',
    'Script Coordinator',
    'Researcher',
    'Editor',
    'Fact Checker',
    'Translator',
    'Transcriber',
    'Logger',
  ],
  'Audio Production': [
    'Studio Coordinator',
    'Technical Director',
    'Technical Manager',
    'Audio Engineer',
    'Remote Recording Engineer',
    'Post Production Engineer',
  ],
  'Audio Post-Production': [
    'Audio Editor',
    'Sound Designer',
    'Foley Artist',
    'Composer',
    'Theme Music',
    'Music Production',
    'Music Contributor',
  ],
  Administration: [
    'Production Coordinator',
    'Booking Coordinator',
    'Production Assistant',
    'Content Manager',
    'Marketing Manager',
    'Sales Representative',
    'Sales Manager',
  ],
  Visuals: ['Graphic Designer', 'Cover Art Designer'],
  Community: ['Social Media Manager'],
  Misc: ['Consultant', 'Intern'],
} as const

export type PersonRole = (typeof roleGroups)[keyof typeof roleGroups][number]

export const personRoles = Object.values(roleGroups).flat() as PersonRole[]

/** The group that a role belongs to. */
export const groupOf = (role: PersonRole): string =>
  Object.entries(roleGroups).find(([, roles]) => (roles as readonly string[]).includes(role))![0]
