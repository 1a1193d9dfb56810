<script setup lang="ts">
/** Forms that are put in: images, tables, buttons, panels, rules, files, notes. */
import type { Node as PmNode } from '@tiptap/pm/model';
import { computed, useTemplateRef } from 'vue';
import { useHouse } from '../../ui/house';
import PopMenu from '../../ui/PopMenu.vue';
import type { Desk } from '../desk/useDesk';
import { placeBlock } from '../editor/operations/insert';

const props = defineProps<{ desk: Desk }>();
const emit = defineEmits<{ markers: [] }>();
const house = useHouse();
const { manuscript, assets, tab, insertable } = props.desk;
const { editor } = manuscript;
const images = useTemplateRef<HTMLInputElement>('images');
const files = useTemplateRef<HTMLInputElement>('files');
const colours = computed(() => Object.keys(house.house.style.colours));

function block(name: string, attrs: Record<string, unknown>, content?: PmNode): void {
  const node = editor.schema.nodes[name]?.create(attrs, content);
  if (node) placeBlock(editor, [node]);
  editor.commands.focus();
}
function button(): void {
  block('button', { href: 'https://', align: null }, editor.schema.text('Press here'));
  tab.value = 'Chosen';
}
/** Puts the blocks with the selection on the tint of a colour, or takes them off it. */
function panel(colour: string): void {
  const { panel: type } = editor.schema.nodes;
  if (!type) return;
  editor.chain().focus().toggleWrap('panel', { colour }).run();
}
async function putImages(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  if (await assets.putImages([...(input.files ?? [])])) tab.value = 'Chosen';
  input.value = '';
}
async function attach(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  await assets.attach([...(input.files ?? [])]);
  input.value = '';
}
</script>

<template>
  <input
    ref="images"
    type="file"
    accept="image/png,image/jpeg,image/gif,image/webp"
    multiple
    hidden
    aria-label="Images"
    @change="putImages"
  />
  <input ref="files" type="file" multiple hidden aria-label="Files to attach" @change="attach" />
  <PopMenu label="Put in" :width="210">
    <template #default="{ close }">
      <template v-if="insertable.inBody">
        <button type="button" class="row" role="menuitem" @click="(close(false), images?.click())">Image</button>
        <button
          type="button"
          class="row"
          role="menuitem"
          @click="(close(false), editor.chain().focus().insertTable({ rows: 3, cols: 2, withHeaderRow: true }).run())"
        >
          Table
        </button>
        <button type="button" class="row" role="menuitem" @click="(close(false), button())">Button</button>
        <button
          type="button"
          class="row"
          role="menuitem"
          @click="(close(false), editor.chain().focus().setHorizontalRule().run())"
        >
          Rule
        </button>
        <p class="quiet small group-name">Panel on the tint of</p>
        <button
          v-for="colour in colours"
          :key="colour"
          type="button"
          class="row"
          role="menuitem"
          @click="(close(false), panel(colour))"
        >
          {{ colour }}
        </button>
      </template>
      <button
        v-if="manuscript.front.value.kind === 'message'"
        type="button"
        class="row"
        role="menuitem"
        @click="(close(false), files?.click())"
      >
        Attachment
      </button>
      <button type="button" class="row" role="menuitem" @click="(close(false), emit('markers'))">Find markers</button>
    </template>
  </PopMenu>
</template>

<style scoped>
.group-name {
  padding: 6px 12px 2px;
}
</style>
