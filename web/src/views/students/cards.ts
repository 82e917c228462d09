import { shallowRef } from 'vue'

import { giveCode } from '../../api/people'

/** A card by which somebody comes in. */
export interface Card {
  id: string
  name: string
  code: string
}

/** The cards that were made on this page, which are shown and printed once: nobody keeps the codes. */
export const cards = shallowRef<Card[]>([])

/** Makes a card for each, telling how many are done. */
export async function makeCards(
  people: { id: string; name: string }[],
  done: (n: number) => void = () => undefined,
): Promise<void> {
  cards.value = []
  for (const { id, name } of people) {
    const code = await giveCode(id)
    cards.value = [...cards.value, { id, name, code }]
    done(cards.value.length)
  }
}
