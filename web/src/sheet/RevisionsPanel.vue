<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed, onMounted, ref } from 'vue'
import { useReleasesStore } from '../store/releases'
import { useSheetStore } from '../store/sheet'

/** What was released, what was changed since, and the next release. */
const releases = useReleasesStore()
const sheet = useSheetStore()

const today = (): string => new Date().toISOString().slice(0, 10)
const words = ref('')
const by = ref(sheet.all.title.approver || sheet.all.title.creator)
const date = ref(today())
/** What is missing of the form, told once it was tried. */
const wrong = ref('')

onMounted(() => void releases.load())

/** Those of the table, and those that are kept though their row was undone. */
const rows = computed(() => {
  const kept = new Map(releases.kept.map((k) => [k.mark, k]))
  const own = releases.revisions.map((r) => ({ ...r, isKept: kept.has(r.mark), isUndone: false }))
  const undone = releases.kept.flatMap((k) =>
    releases.revisions.some((r) => r.mark === k.mark)
      ? []
      : [{ ...k, date: k.at.slice(0, 10), by: '', isKept: true, isUndone: true }],
  )
  return [...own, ...undone]
})

async function release(): Promise<void> {
  const first = releases.revisions.length === 0
  if (words.value.trim() === '' && !first) {
    wrong.value = 'Say in a few words what was changed.'
    return
  }
  wrong.value = ''
  const said = words.value.trim() || 'first release'
  const done = await releases.releaseNow(said, by.value.trim(), date.value.trim() || today())
  if (done) words.value = ''
}
</script>

<template>
  <div class="sheet-panel">
    <section aria-label="Released">
      <h2>Released</h2>
      <p v-if="rows.length === 0" class="soft">
        Nothing was released yet. A release is kept as it is, with the part it shows; what is
        changed later is marked on the drawing.
      </p>
      <ul v-else>
        <li v-for="r in rows" :key="r.mark">
          <span class="mark figure">{{ r.mark }}</span>
          <span class="about">
            {{ r.words }}
            <span class="soft">{{ [r.date, r.by].filter((t) => t !== '').join(', ') }}</span>
            <span v-if="r.isUndone" class="soft">Its row was undone; it is kept all the same.</span>
            <span v-else-if="!r.isKept" class="soft"
              >Kept elsewhere: the part came from a file.</span
            >
          </span>
          <Button v-if="r.isKept" size="small" @click="releases.show(r.mark)">Show</Button>
        </li>
      </ul>
    </section>
    <section v-if="releases.revisions.length > 0" aria-label="Changed since">
      <h2>Changed since {{ releases.revisions.at(-1)?.mark }}</h2>
      <p v-if="releases.changes.length === 0" class="soft">Nothing.</p>
      <ul v-else class="changes">
        <li v-for="c in releases.changes" :key="c" class="figure">{{ c }}</li>
      </ul>
    </section>
    <section aria-label="Release">
      <h2>Release {{ releases.next }}</h2>
      <form class="fields" @submit.prevent="release">
        <label for="release-words">Change</label>
        <textarea
          id="release-words"
          v-model="words"
          rows="2"
          maxlength="300"
          :placeholder="releases.revisions.length === 0 ? 'first release' : ''"
          :aria-invalid="wrong !== ''"
        />
        <label for="release-by">By</label>
        <input id="release-by" v-model="by" maxlength="100" />
        <label for="release-date">Date</label>
        <input id="release-date" v-model="date" class="figure" maxlength="40" />
        <span />
        <span>
          <Button
            type="primary"
            html-type="submit"
            :disabled="!sheet.drawing"
            :loading="releases.busy"
          >
            Release {{ releases.next }}
          </Button>
        </span>
      </form>
      <p v-if="wrong !== ''" class="told" role="alert">{{ wrong }}</p>
    </section>
  </div>
</template>

<style scoped src="./panel.css"></style>
<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  gap: 10px;
  align-items: start;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}

.mark {
  min-width: 22px;
  font-size: 16px;
  font-weight: 600;
}

.about {
  display: grid;
  flex: 1;
  min-width: 0;
  overflow-wrap: anywhere;
}

.changes li {
  display: block;
  font-size: 13px;
}
</style>
