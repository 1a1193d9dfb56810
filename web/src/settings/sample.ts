/** A made-up message that shows all that a house style says. */

export const sampleSource = (colours: readonly string[]): string => `---
vocabula: 1
kind: message
title: Sample
subject: Your visit
---
# Your visit

Dear Siobhán, we look forward to **Tuesday**. What to bring is on [our page](https://larkmoor.example/bring).

## What it costs

| Ticket | Price |
| --- | ---: |
| Adult | 5.00 |
| Child | 2.50 |

<a data-button href="https://larkmoor.example/book">Book a guide</a>

<div data-panel="${colours[1] ?? colours[0] ?? 'ink'}">

The geese have been spoken to.

</div>

> They have promised nothing.

${colours.map((name) => `<span data-colour="${name}">${name}</span>`).join(' · ')}

---

### Until soon
`;
