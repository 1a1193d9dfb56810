<script setup lang="ts">
/** What a text needs and what needs it: a small picture that can be walked, and the same as a list. */
import PushButton from '../ui/controls/PushButton.vue';
import type { Neighbours } from '@vocabula/contract';
import { hierarchy, tree } from 'd3-hierarchy';
import { linkHorizontal } from 'd3-shape';
import { computed, shallowRef, watch } from 'vue';
import { api } from '../api/client';

const { name } = defineProps<{ name: string }>();
const emit = defineEmits<{ go: [name: string] }>();
/** The text the picture is about now: one may walk on in it without leaving what is read. */
const centre = shallowRef<Neighbours>();
const problem = shallowRef('');
const [WIDTH, ROW] = [368, 26];
const MOST = 7;

async function walk(to: string): Promise<void> {
  try {
    centre.value = await api.neighbours(to);
    problem.value = '';
  } catch (failure) {
    problem.value = failure instanceof Error ? failure.message : 'This picture cannot be shown.';
  }
}
watch(() => name, walk, { immediate: true });

interface Leaf {
  readonly name: string;
  readonly title: string;
  readonly kind: string;
  readonly children?: readonly Leaf[];
}
interface Spot {
  readonly leaf: Leaf;
  readonly x: number;
  readonly y: number;
  readonly side: 'left' | 'right' | 'middle';
}
/** Left, what needs it; right, what it needs; each side a tree of one level. */
const picture = computed(() => {
  const now = centre.value;
  if (!now) return undefined;
  const lines = Math.max(1, Math.min(MOST, now.usedIn.length), Math.min(MOST, now.needs.length));
  const height = lines * ROW + 12;
  const side = (list: readonly Leaf[], to: 'left' | 'right'): Spot[] => {
    const root = hierarchy<Leaf>({ name: now.name, title: now.title, kind: now.kind, children: list.slice(0, MOST) });
    const laid = tree<Leaf>().size([height, WIDTH / 2 - 118])(root);
    return (laid.children ?? []).map((node) => ({
      leaf: node.data,
      x: WIDTH / 2 + (to === 'left' ? -1 : 1) * node.y,
      y: node.x,
      side: to,
    }));
  };
  const spots = [...side(now.usedIn, 'left'), ...side(now.needs, 'right')];
  const link = linkHorizontal<unknown, [number, number]>();
  const middle: [number, number] = [WIDTH / 2, height / 2];
  return {
    height,
    spots,
    links: spots.map(({ x, y }) => link({ source: middle, target: [x, y] }) ?? ''),
    rest: Math.max(0, now.usedIn.length - MOST) + Math.max(0, now.needs.length - MOST),
  };
});
const short = (title: string): string => (title.length > 18 ? `${title.slice(0, 17)}…` : title);
const MARK: Readonly<Record<string, string>> = { message: '▭', block: '❏', signature: '✎', fact: '€' };
</script>

<template>
  <section v-if="centre" class="uses" aria-label="Where used">
    <h2>
      Where used
      <PushButton kind="plain" size="small" v-if="centre.name !== name" @click="walk(name)"
        >back to this text</PushButton
      >
    </h2>
    <p v-if="problem" class="error small">{{ problem }}</p>
    <svg
      v-if="picture && picture.spots.length"
      :viewBox="`0 0 ${WIDTH} ${picture.height}`"
      :height="picture.height"
      role="img"
      :aria-label="`${centre.title}: needed by ${centre.usedIn.length}, needs ${centre.needs.length}. The same is listed below.`"
    >
      <path v-for="(path, index) in picture.links" :key="index" :d="path" class="link" />
      <g class="middle" :transform="`translate(${WIDTH / 2},${picture.height / 2})`">
        <circle r="4.5" />
        <text y="-9" text-anchor="middle">{{ short(centre.title) }}</text>
      </g>
      <g
        v-for="spot in picture.spots"
        :key="`${spot.side} ${spot.leaf.name}`"
        class="spot"
        :transform="`translate(${spot.x},${spot.y})`"
        @click="walk(spot.leaf.name)"
        @dblclick="spot.leaf.kind === 'fact' || emit('go', spot.leaf.name)"
      >
        <circle r="3.5" />
        <text :x="spot.side === 'left' ? -8 : 8" y="4" :text-anchor="spot.side === 'left' ? 'end' : 'start'">
          {{ MARK[spot.leaf.kind] }} {{ short(spot.leaf.title) }}
        </text>
      </g>
    </svg>
    <p v-if="picture?.rest" class="quiet small">{{ picture.rest }} more are listed below.</p>
    <div class="lists small">
      <div>
        <p class="quiet">Needed by {{ centre.usedIn.length || 'nothing' }}</p>
        <ul>
          <li v-for="each in centre.usedIn" :key="each.name">
            <PushButton kind="plain" size="small" @click="walk(each.name)">{{ each.title }}</PushButton>
            <PushButton
              kind="plain"
              size="small"
              class="quiet"
              :aria-label="`Read ${each.title}`"
              @click="emit('go', each.name)"
            >
              read
            </PushButton>
          </li>
        </ul>
      </div>
      <div>
        <p class="quiet">Needs {{ centre.needs.length || 'nothing' }}</p>
        <ul>
          <li v-for="each in centre.needs" :key="each.name">
            <PushButton kind="plain" size="small" @click="walk(each.name)">{{ each.title }}</PushButton>
            <span v-if="each.kind === 'fact'" class="quiet">fact</span>
            <PushButton
              kind="plain"
              size="small"
              v-else
              class="quiet"
              :aria-label="`Read ${each.title}`"
              @click="emit('go', each.name)"
            >
              read
            </PushButton>
          </li>
        </ul>
      </div>
    </div>
  </section>
</template>

<style scoped>
.uses {
  display: grid;
  gap: 4px;
}
svg {
  width: 100%;
  font: 400 0.6875rem var(--sans);
  overflow: visible;
}
.link {
  fill: none;
  stroke: var(--edge);
}
circle {
  fill: var(--sheet);
  stroke: var(--edge);
  stroke-width: 1.5;
}
.middle circle {
  fill: var(--action);
  stroke: var(--action);
}
.middle text {
  font-weight: 600;
}
.spot {
  cursor: pointer;
}
.spot:hover text {
  text-decoration: underline;
}
text {
  fill: var(--ink);
}
.lists {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
ul {
  list-style: none;
  margin: 0 0 0 -8px;
  padding: 0;
}
li {
  display: flex;
  min-width: 0;
  align-items: center;
}
li button {
  height: 24px;
  overflow: hidden;
  text-overflow: ellipsis;
}
li button.quiet {
  flex: none;
  opacity: 0;
}
li:hover button.quiet,
li:focus-within button.quiet {
  opacity: 1;
}
</style>
