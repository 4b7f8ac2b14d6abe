import { Button, Center, Loader, Stack, Text } from '@mantine/core'

type Props = { what: string; error: Error | null; onRetry: () => void }

/** Nothing to show yet, or nothing to be had: which, and what to do. */
export function Waiting({ what, error, onRetry }: Props) {
  return (
    <Center component="main" h="100%">
      <h1 className="hidden-text">{what}</h1>
      {error ? (
        <Stack align="center" maw={420} role="alert">
          <Text ta="center">{error.message}</Text>
          <Button variant="default" onClick={onRetry}>
            Try again
          </Button>
        </Stack>
      ) : (
        <Stack align="center" role="status">
          <Loader type="dots" />
          <Text c="dimmed">Fetching {what}…</Text>
        </Stack>
      )}
    </Center>
  )
}
