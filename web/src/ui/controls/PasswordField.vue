<script setup lang="ts">
/** A labelled password field in a checked form. A new password gets help on its length. */
import InputText from 'primevue/inputtext';
import { MIN_PASSWORD } from '@vocabula/contract/constants';
import FieldRow from './FieldRow.vue';

const {
  name = 'password',
  label = 'Password',
  isNew,
} = defineProps<{
  /** Name of the field in the form's schema. */
  name?: string;
  label?: string;
  /** Whether a new password is chosen here: password managers offer one, and its length is explained. */
  isNew?: boolean;
  problem?: string | undefined;
  autofocus?: boolean;
}>();
</script>

<template>
  <FieldRow
    v-slot="{ id, describedBy }"
    :label="label"
    :help="isNew ? `At least ${MIN_PASSWORD} characters; a sentence works well.` : ''"
    :problem="problem"
    ><InputText
      :id="id"
      :name="name"
      type="password"
      :autocomplete="isNew ? 'new-password' : 'current-password'"
      :autofocus="autofocus"
      :aria-describedby="describedBy"
  /></FieldRow>
</template>
