import { Button, FileButton, Slider, Text } from '@mantine/core'
import { useState } from 'react'
import classes from './StageSheet.module.css'
import { bringPicture, type OwnPictureOf } from '../../api/client'

type Props = { picture: OwnPictureOf | undefined; onChange: (picture: OwnPictureOf | undefined) => void }

/** A picture of the real place instead of the drawn one. */
export function OwnPicture({ picture, onChange }: Props) {
  const [told, setTold] = useState<string>()
  const bring = async (file: File | null) => {
    if (!file) return
    setTold('Reading the picture…')
    try {
      const { id } = await bringPicture(file)
      onChange({ id, horizon_share: picture?.horizon_share ?? 0.5 })
      setTold(undefined)
    } catch (error) {
      setTold(error instanceof Error ? error.message : String(error))
    }
  }
  return (
    <div className={classes.own}>
      <FileButton onChange={(file) => void bring(file)} accept="image/png,image/jpeg">
        {(props) => (
          <Button size="compact-sm" radius="xl" variant="default" {...props}>
            {picture ? 'Another picture of the place' : 'Own picture of the place'}
          </Button>
        )}
      </FileButton>
      {picture && (
        <>
          <Button
            size="compact-sm"
            radius="xl"
            variant="subtle"
            color="gray"
            onClick={() => onChange(undefined)}
          >
            The drawn place again
          </Button>
          <Text size="sm" mt={8}>
            Its horizon, from the top
          </Text>
          <Slider
            aria-label="Horizon of the picture"
            min={0}
            max={1}
            step={0.01}
            value={picture.horizon_share}
            label={(share) => `${Math.round(share * 100)} %`}
            onChange={(horizon_share) => onChange({ ...picture, horizon_share })}
          />
          <Text size="xs" c="dimmed" mt={6}>
            It stays on this machine, and goes with the shot only where you give that out as a file.
          </Text>
        </>
      )}
      {told && (
        <Text size="sm" mt={6} role="status">
          {told}
        </Text>
      )}
    </div>
  )
}
