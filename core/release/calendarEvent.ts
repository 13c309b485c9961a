/** What a person's own calendar says of an episode's moment. */
export const eventWords = (
  showName: string,
  title: string,
  state: 'out' | 'ready' | 'not ready',
): { summary: string; description: string } => ({
  summary: `${state === 'not ready' ? 'Not ready: ' : ''}${showName}: ${title}`,
  description:
    state === 'out' ? 'Released.' : state === 'ready' ? 'Scheduled.' : 'It will be released once it is ready.',
})
