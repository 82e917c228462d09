/**
 * Runs the core, built for the browser, beside the page: hears one take after another, and
 * answers what the stand asks.
 */
import earUrl from '../device/ear.wasm?url'
import execUrl from '../device/wasm_exec.js?url'

import {
  nothing,
  type DeviceVerdict,
  type FromEar,
  type Mark,
  type Question,
  type ToEar,
} from './ear'

/** What the core puts up, each answering in JSON. */
declare const manudrillEar: {
  begin(task: string): string
  hear(samples: Uint8Array): string
  strike(struck: string): string
  end(struck?: string): string
}
declare const manudrillStand: Record<Question, (question: string, samples?: Uint8Array) => string>
declare class Go {
  importObject: WebAssembly.Imports
  run(instance: WebAssembly.Instance): Promise<void>
}

const tell = (message: FromEar) => self.postMessage(message)

async function load() {
  await import(/* @vite-ignore */ execUrl)
  const go = new Go()
  const made = await WebAssembly.instantiateStreaming(fetch(earUrl), go.importObject)
  void go.run(made.instance).then(() => tell({ kind: 'gone', why: 'The core has ended' }))
}

const loaded = load().then(
  () => tell({ kind: 'ready' }),
  (thrown: unknown) => {
    tell({ kind: 'gone', why: String(thrown) })
    throw thrown
  },
)

/** What the core answers, or what it says went wrong. */
function answered(json: string): { error?: string } & Record<string, unknown> {
  return JSON.parse(json) ?? {}
}

function obey(message: ToEar): FromEar | undefined {
  switch (message.kind) {
    case 'begin': {
      const { error } = answered(manudrillEar.begin(message.task))
      return error === undefined ? undefined : { kind: 'failed', take: message.take, why: error }
    }
    case 'hear': {
      const said = answered(manudrillEar.hear(new Uint8Array(message.samples.buffer)))
      if (said.error !== undefined) return { kind: 'failed', take: message.take, why: said.error }
      return said.marks
        ? { kind: 'marks', take: message.take, marks: said.marks as Mark[] }
        : undefined
    }
    case 'strike': {
      const said = answered(manudrillEar.strike(JSON.stringify(message.struck)))
      return said.marks
        ? { kind: 'marks', take: message.take, marks: said.marks as Mark[] }
        : undefined
    }
    case 'end': {
      const struck = message.struck && JSON.stringify(message.struck)
      const said = answered(manudrillEar.end(struck))
      if (said.error !== undefined) return { kind: 'failed', take: message.take, why: said.error }
      const verdict = said.nothing ? nothing : (said as unknown as DeviceVerdict)
      return { kind: 'verdict', take: message.take, verdict }
    }
    case 'ask': {
      const answer = answered(
        manudrillStand[message.what](
          message.question,
          message.samples && new Uint8Array(message.samples.buffer),
        ),
      )
      return { kind: 'answer', id: message.id, answer, error: answer.error }
    }
  }
}

self.onmessage = ({ data }: MessageEvent<ToEar>) =>
  void loaded.then(
    () => {
      const said = obey(data)
      if (said) tell(said)
    },
    () => undefined, // told once
  )
