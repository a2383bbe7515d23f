/** What the parts of a record are called where it is read beside the book. */
export const readingParts = {
  title: 'Title',
  uniformTitles: 'Uniform title',
  names: 'Names',
  edition: 'Edition',
  publication: 'Publication',
  description: 'Description',
  series: 'Series',
  isbns: 'ISBN',
  language: 'Language',
  summary: 'Summary',
  contents: 'Contents',
  subjects: 'Subjects',
  classes: 'Class',
  notes: 'Notes',
  links: 'Links',
};
