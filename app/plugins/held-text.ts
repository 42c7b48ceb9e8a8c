/**
 * `v-held` shows a value in a box that is changed when it is left or Enter is pressed. What someone is typing stays, whatever else is drawn
 * anew meanwhile, and so does what was refused, until it is mended: its box is marked as wrong. A value that itself changes is shown.
 */
export default defineNuxtPlugin(({ vueApp }) => {
  const show = (box: HTMLInputElement | HTMLTextAreaElement, value: unknown) => {
    box.value = String(value ?? '')
  }
  vueApp.directive<HTMLInputElement | HTMLTextAreaElement>('held', {
    beforeMount: (box, { value }) => show(box, value),
    updated(box, { value, oldValue }) {
      const isKept = document.activeElement === box || box.classList.contains('wrong')
      if (value !== oldValue || !isKept) show(box, value)
    },
  })
})
