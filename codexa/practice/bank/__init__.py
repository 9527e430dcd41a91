"""The practice bank: takes made-up cards, tells who asks what became of them, and moves no money."""
