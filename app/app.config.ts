export default defineAppConfig({
  ui: {
    colors: { primary: 'moss', neutral: 'stone' },
    modal: { slots: { content: 'bg-(--paper-raised) rounded-md ring-0 border border-(--line-strong) divide-y-0', overlay: 'bg-black/30' } },
    popover: { slots: { content: 'bg-(--paper-raised) ring-0 border border-(--line-strong) rounded-md shadow-xl' } },
  },
})
