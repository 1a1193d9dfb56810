/** Style of what is marked in a proof: blanks, passages left out, places that are looked at, words changed by hand. */
import { PROOF_CLASS, PROOF_DATA } from '@vocabula/core';

export const PROOF_MARKS = `
  html { color-scheme: light; }
  body { overflow-wrap: anywhere; }
  body > :last-child { margin-bottom: 0 !important; }
  .${PROOF_CLASS.blank} { background: linear-gradient(transparent 58%, #E9B949 58%, #E9B949 92%, transparent 92%); cursor: pointer; }
  [${PROOF_DATA.stretch}] { cursor: pointer; }
  .vs-lit { background-color: #DCE9E6; box-shadow: 0 -2px #DCE9E6, 0 2px #DCE9E6; color: #20262E; }
  .vs-fresh { font-weight: 600; text-decoration: underline 2px #1E6E66; text-underline-offset: 3px; }
  .vs-blank { background: linear-gradient(transparent 58%, #E9B949 58%, #E9B949 92%, transparent 92%); }
  .vx-now { background-color: #DCE9E6; box-shadow: 0 -3px #DCE9E6, 0 3px #DCE9E6; }
  .${PROOF_CLASS.gone} { display: inline-block; width: 10px; border-bottom: 1.5px dotted #857D6E; }
  .${PROOF_CLASS.leftOut} { margin: 0 0 14px; color: #5D6470; }
  .${PROOF_CLASS.leftOut} summary { font: 12px/16px sans-serif; display: flex; align-items: center; gap: 8px; cursor: pointer; list-style: none; }
  .${PROOF_CLASS.leftOut} summary::after { content: ''; flex: 1; border-top: 1.5px dotted #857D6E; }
  .${PROOF_CLASS.leftOut}[open] > :not(summary) { opacity: .75; border-left: 1.5px dotted #857D6E; padding-left: 12px !important; }
  ::highlight(changed) { text-decoration: underline 1.5px; }
  @media (forced-colors: active) { .${PROOF_CLASS.blank} { outline: 1px solid; } }
  .${PROOF_CLASS.note} { font: 12px/16px sans-serif; color: #5D6470; border-left: 2px solid #857D6E; padding-left: 6px; margin: 0 0 14px; }
  span.${PROOF_CLASS.note} { margin: 0; }
  .vx-unsure { border-bottom: 1.5px dotted #5D6470; }
  [${PROOF_DATA.line}] { border-radius: 1px; }
  .worked [${PROOF_DATA.line}]:hover, .worked summary:hover { box-shadow: 0 0 0 4px #F4F1EA; background-color: #F4F1EA; cursor: text; }
  [${PROOF_DATA.line}]:focus, summary:focus { outline: 2px solid #1E6E66; outline-offset: 4px; }
  [${PROOF_DATA.line}][contenteditable] { outline: 2px solid #1E6E66; outline-offset: 4px; background: #FFFDF8; box-shadow: none; }
  [${PROOF_DATA.line}][contenteditable] [${PROOF_DATA.node}] .${PROOF_CLASS.value}, [${PROOF_DATA.line}][contenteditable] .${PROOF_CLASS.value} { border-bottom: 1.5px dotted #857D6E; }
  .vx-reworded { text-decoration: underline 1.5px dashed #7A5400; text-underline-offset: 4px; }
  .worked .${PROOF_CLASS.gone} { cursor: pointer; }
`;

/** What keys go through in a message that is worked in: its lines and what is left out. */
export const WORKED_STOPS = `[${PROOF_DATA.line}], .${PROOF_CLASS.leftOut} > summary`;
