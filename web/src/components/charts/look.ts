/** How charts look: the tokens of the pages, so that ink stays ink. */
export interface Look {
  ink: string
  soft: string
  faint: string
  line: string
  sheet: string
  timing: string
  type: string
}

export function lookNow(): Look {
  const style = getComputedStyle(document.documentElement)
  const token = (name: string) => style.getPropertyValue(name).trim()
  return {
    ink: token('--ink'),
    soft: token('--ink-2'),
    faint: token('--ink-3'),
    line: token('--line'),
    sheet: token('--sheet'),
    timing: token('--timing'),
    type: token('--type'),
  }
}

export const textOf = (look: Look) => ({ color: look.soft, fontFamily: look.type, fontSize: 13 })

/** What all charts share. */
export function frameOf(look: Look) {
  return {
    animation: false,
    textStyle: { fontFamily: look.type },
    tooltip: {
      trigger: 'item' as const,
      textStyle: { fontFamily: look.type, color: look.ink },
      backgroundColor: look.sheet,
      borderColor: look.line,
    },
  }
}

/** An axis of days. Days come as their midnight in UTC, which the label must not move. */
export function dayAxis(look: Look) {
  return {
    type: 'time' as const,
    axisLine: { lineStyle: { color: look.line } },
    axisLabel: {
      ...textOf(look),
      formatter: (at: number) => dayMonth(new Date(at).toISOString()),
      hideOverlap: true,
    },
    splitLine: { show: false },
  }
}

/** A vertical axis, with its unit. */
export function valueAxis(look: Look, name: string) {
  return {
    type: 'value' as const,
    name,
    nameGap: 14,
    nameTextStyle: { ...textOf(look), align: 'left' as const },
    axisLabel: textOf(look),
    splitLine: { lineStyle: { color: look.line } },
  }
}

/** A dashed line across, as a target or a gate. */
export function lineAcross(look: Look, at: number, text: string) {
  return {
    silent: true,
    symbol: 'none',
    lineStyle: { color: look.soft, type: 'dashed' as const },
    label: { ...textOf(look), formatter: text },
    data: [{ yAxis: at }],
  }
}

const dayAndMonth = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  timeZone: 'UTC',
})

/** "3 Mar" of a day that comes as its midnight in UTC. */
export function dayMonth(iso: string): string {
  return dayAndMonth.format(new Date(iso))
}
