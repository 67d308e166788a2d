import { wrap } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import type { CodeReader } from './readCode.worker'

/** A code is looked for so often, in a picture no wider than this. */
const [everyMs, widthPx] = [200, 480]

/** Why there is no picture, in words. */
const noCamera = 'This page may not use the camera here: browsers allow it over TLS or on the machine itself only. Type the code on the glass; it does as well.'

/** What offers cameras; nothing over plain http. */
const cameras = (): MediaDevices | undefined => (navigator as { mediaDevices?: MediaDevices }).mediaDevices

/** The picture of the camera, and what its codes say; where there is none, why. */
export function useCamera(onRead: (text: string) => void) {
  const video = useRef<HTMLVideoElement>(null)
  const read = useRef(onRead)
  const [problem, setProblem] = useState<string | null>(() => (cameras() ? null : noCamera))
  useEffect(() => {
    read.current = onRead
  }, [onRead])
  useEffect(() => {
    const devices = cameras()
    if (!devices) return
    const worker = new Worker(new URL('./readCode.worker.ts', import.meta.url), { type: 'module' })
    const reader = wrap<CodeReader>(worker)
    let [stream, timer, isOver]: [MediaStream | null, ReturnType<typeof setTimeout> | undefined, boolean] = [null, undefined, false]
    const look = async (): Promise<void> => {
      const picture = pictureOf(video.current)
      const text = picture ? await reader.read(picture.data, picture.width, picture.height) : null
      if (isOver) return
      if (text !== null) read.current(text)
      timer = setTimeout(() => void look(), everyMs)
    }
    devices.getUserMedia({ video: { facingMode: 'environment' } }).then(
      (found) => {
        if (isOver) return found.getTracks().forEach((track) => track.stop())
        stream = found
        if (video.current) {
          video.current.srcObject = found
          void video.current.play().catch(() => undefined)
        }
        void look()
      },
      () => !isOver && setProblem('There is no camera here, or this page was not allowed to use it. Type the code on the glass; it does as well.'),
    )
    return () => {
      isOver = true
      clearTimeout(timer)
      stream?.getTracks().forEach((track) => track.stop())
      worker.terminate()
    }
  }, [])
  return { video, problem }
}

function pictureOf(video: HTMLVideoElement | null): ImageData | null {
  if (!video || video.videoWidth === 0) return null
  const scale = Math.min(1, widthPx / video.videoWidth)
  const canvas = Object.assign(document.createElement('canvas'), { width: Math.round(video.videoWidth * scale), height: Math.round(video.videoHeight * scale) })
  const context = canvas.getContext('2d', { willReadFrequently: true })
  context?.drawImage(video, 0, 0, canvas.width, canvas.height)
  return context?.getImageData(0, 0, canvas.width, canvas.height) ?? null
}
