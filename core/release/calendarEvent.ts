/** What a person's own calendar says of an episode's moment. */
export const eventWords = (
  showName: string,
  title: string,
  state: 'out' | 'ready' | 'not ready',
): { summary: string; description: string } => ({
  summary: `${state === 'not ready' ? 'Not ready: ' : ''}${showName}: ${title}`,
  description:
    state === 'out' ? 'It is out.' : state === 'ready' ? 'It goes out by itself.' : 'It goes out once it is ready.',
})
