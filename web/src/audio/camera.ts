import { useStorage } from '@vueuse/core'

/** Whether hands are filmed where the instructor asks for it; the student decides, on this device. */
export const filming = useStorage('manudrill film', true)

/** The hands while a take was played. */
export interface Film {
  blob: Blob
  /** In s from the start of the take's sound. */
  startsAt: number
}

/** The longest that is filmed, in s, and the most that is kept of it, in bytes. */
const longest = 300
export const mostBytes = 64 * 2 ** 20
/** Small and slow enough for a phone's line: hands are seen well by it. */
const picture = { width: { ideal: 640 }, height: { ideal: 480 }, frameRate: { ideal: 30, max: 30 } }
const bitsPerSecond = 900_000

/** How long a take waits for the camera, in ms: somebody may have to be asked for it. */
const patience = 20_000

/** Films hands, without sound: that is the take's. */
export class Camera {
  private recorder?: MediaRecorder
  private chunks: Blob[] = []
  private began = 0
  private end?: ReturnType<typeof setTimeout>

  private constructor(private readonly stream: MediaStream) {}

  /** Opens the camera of the browser's choice; undefined where there is none, or it was refused. */
  static async open(): Promise<Camera | undefined> {
    if (!navigator.mediaDevices || typeof MediaRecorder === 'undefined') return undefined
    const opened = navigator.mediaDevices.getUserMedia({ video: picture }).then(
      (stream) => new Camera(stream),
      (thrown) => void console.warn('hands are not filmed', thrown), // the take goes on without
    )
    let late = false
    const waited = new Promise<undefined>((resolve) =>
      setTimeout(() => resolve(void (late = true)), patience),
    )
    void opened.then((camera) => late && camera?.close())
    return Promise.race([opened, waited])
  }

  start(): void {
    this.chunks = []
    this.recorder = new MediaRecorder(this.stream, { videoBitsPerSecond: bitsPerSecond })
    this.recorder.ondataavailable = ({ data }) => data.size > 0 && this.chunks.push(data)
    this.began = performance.now()
    this.recorder.onstart = () => (this.began = performance.now())
    this.recorder.start(1000)
    this.end = setTimeout(
      () => this.recorder?.state === 'recording' && this.recorder.stop(),
      longest * 1000,
    )
  }

  /** What was filmed since the start; sound is when the take's sound begins, by the page's clock in ms. */
  async stop(sound: number): Promise<Film | undefined> {
    const { recorder } = this
    clearTimeout(this.end)
    this.recorder = undefined
    if (!recorder) return undefined
    if (recorder.state !== 'inactive')
      await new Promise((resolve) => {
        recorder.onstop = resolve
        recorder.stop()
      })
    const blob = new Blob(this.chunks, { type: recorder.mimeType })
    this.chunks = []
    if (blob.size === 0 || blob.size > mostBytes) return undefined
    return { blob, startsAt: (this.began - sound) / 1000 }
  }

  close(): void {
    clearTimeout(this.end)
    for (const track of this.stream.getTracks()) track.stop()
  }
}
