// What a style sheet is to a test of a part.
export default {};
