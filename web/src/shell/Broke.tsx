import { Button, Center, Stack, Text } from '@mantine/core'

/** A page that broke: what is safe, and what to do. */
export function Broke() {
  return (
    <Center component="main" h="100%" data-testid="broke">
      <Stack align="center" maw={420} role="alert">
        <h1 className="hidden-text">This page broke</h1>
        <Text ta="center">
          This page broke and cannot go on. Everything that was marked as saved is safe. Load it anew; if it
          breaks again, the list of shots still opens them one by one.
        </Text>
        <Button onClick={() => window.location.reload()}>Load it anew</Button>
        <Button variant="default" component="a" href="/">
          To the shots
        </Button>
      </Stack>
    </Center>
  )
}
