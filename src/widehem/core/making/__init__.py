"""What happens between true paper and a costume on the rail: the order of work, the lay of the cloth, what a cloth asks for."""
