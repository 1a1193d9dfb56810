/** The named colours of the house, as rules for the manuscript. */
import { tint, type HouseStyle } from '@vocabula/core';

export function houseRules({ colours, button }: HouseStyle): string {
  const rules = Object.entries(colours).flatMap(([name, { light }]) => {
    const quoted = JSON.stringify(name);
    return [
      `.manuscript [data-colour=${quoted}],.line-editor [data-colour=${quoted}]{color:${light}}`,
      `.manuscript [data-highlight=${quoted}],.line-editor [data-highlight=${quoted}]{background:${tint(light)}}`,
      `.manuscript [data-panel=${quoted}]{background:${tint(light)}}`,
    ];
  });
  const under = colours[button.colour]?.light;
  if (under)
    rules.push(`.manuscript .button{background:${under};color:${button.words};border-radius:${button.corners}px}`);
  return rules.join('\n');
}
