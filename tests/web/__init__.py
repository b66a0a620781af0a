from tests import passphrases as passphrases
